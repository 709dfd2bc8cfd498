/** Shells that are open on a desk. */
package zander.desk.shell;
