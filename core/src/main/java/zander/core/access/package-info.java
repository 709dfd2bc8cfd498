/** Who can do what with a file, what stops them on the way to it, and what would let them. */
@NullMarked
package zander.core.access;

import org.jspecify.annotations.NullMarked;
