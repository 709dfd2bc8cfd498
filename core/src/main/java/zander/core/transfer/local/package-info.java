/** A folder on this computer as an end of a transfer. */
@NullMarked
package zander.core.transfer.local;

import org.jspecify.annotations.NullMarked;
