/**
 * Files of a server that are open in another program of this computer: a private copy of each,
 * whose saves go to the server as those of the sheet do.
 */
@NullMarked
package zander.desk.file.own;

import org.jspecify.annotations.NullMarked;
