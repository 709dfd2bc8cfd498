/** Rights of whole trees: looked at, planned, set, read back, put back. */
@NullMarked
package zander.core.change.rights;

import org.jspecify.annotations.NullMarked;
