/** Shells that are open on a desk. */
@NullMarked
package zander.desk.shell;

import org.jspecify.annotations.NullMarked;
