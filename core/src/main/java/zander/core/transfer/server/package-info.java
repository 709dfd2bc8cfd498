/** What all that works on one server for one transfer shares, and the choice how files go. */
@NullMarked
package zander.core.transfer.server;

import org.jspecify.annotations.NullMarked;
