/** The server book: the servers a person saved. */
@NullMarked
package zander.core.book;

import org.jspecify.annotations.NullMarked;
