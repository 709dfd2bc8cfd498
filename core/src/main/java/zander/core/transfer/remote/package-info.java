/** A folder on a server as an end of a transfer: everything whole, and in the journal first. */
@NullMarked
package zander.core.transfer.remote;

import org.jspecify.annotations.NullMarked;
