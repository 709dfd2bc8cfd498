/** New files from templates, and snippets of text; kept on this computer. No controls. */
package zander.desk.template;
