/**
 * Text files of a server that are open: opening, editing and saving, drafts, and what is too large.
 */
@NullMarked
package zander.desk.file;

import org.jspecify.annotations.NullMarked;
