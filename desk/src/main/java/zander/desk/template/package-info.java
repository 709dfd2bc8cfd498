/** New files from templates, and snippets of text; kept on this computer. No controls. */
@NullMarked
package zander.desk.template;

import org.jspecify.annotations.NullMarked;
