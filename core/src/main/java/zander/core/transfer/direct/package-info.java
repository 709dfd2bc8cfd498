/** Contents from one server straight to another. */
@NullMarked
package zander.core.transfer.direct;

import org.jspecify.annotations.NullMarked;
