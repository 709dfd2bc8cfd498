/** What is done with the entries of a folder of the server. */
@NullMarked
package zander.desk.folder.action;

import org.jspecify.annotations.NullMarked;
