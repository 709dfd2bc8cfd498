/** Versions of a file beside each other. */
@NullMarked
package zander.desk.compare;

import org.jspecify.annotations.NullMarked;
