/**
 * The journal as a person reads it, putting back, and what was under way when the program ended.
 */
@NullMarked
package zander.desk.history;

import org.jspecify.annotations.NullMarked;
