/** Shells, as sheets and below. */
@NullMarked
package zander.desk.view.shell;

import org.jspecify.annotations.NullMarked;
