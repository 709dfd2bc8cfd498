/** Where a server is. */
@NullMarked
package zander.core.connect.address;

import org.jspecify.annotations.NullMarked;
