/** What both ends of a transfer are, what they must be able to do, and what goes between them. */
@NullMarked
package zander.core.transfer.endpoint;

import org.jspecify.annotations.NullMarked;
