/** Shells, as sheets and below. */
package zander.desk.view.shell;
