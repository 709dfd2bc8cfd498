/** The line of a desk to its server, how it comes back, and the server's journal. */
@NullMarked
package zander.desk.line;

import org.jspecify.annotations.NullMarked;
