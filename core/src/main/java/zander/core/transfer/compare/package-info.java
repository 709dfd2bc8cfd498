/** Two trees side by side: what a transfer would do, and what differs. */
@NullMarked
package zander.core.transfer.compare;

import org.jspecify.annotations.NullMarked;
