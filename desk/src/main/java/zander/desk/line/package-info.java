/** The line of a desk to its server, how it comes back, and the server's journal. */
package zander.desk.line;
