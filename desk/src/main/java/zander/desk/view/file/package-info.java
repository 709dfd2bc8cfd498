/** Files as sheets. */
package zander.desk.view.file;
