/** How far a transfer is, and how fast it may go. */
@NullMarked
package zander.core.transfer.progress;

import org.jspecify.annotations.NullMarked;
