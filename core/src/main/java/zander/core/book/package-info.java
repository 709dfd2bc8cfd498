/** The server book: the servers a person saved. */
package zander.core.book;
