/** Versions of a file beside each other, in the window. */
@NullMarked
package zander.desk.view.compare;

import org.jspecify.annotations.NullMarked;
