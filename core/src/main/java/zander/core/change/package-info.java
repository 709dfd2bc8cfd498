/**
 * Changes on a server: each whole or not at all, each written down first, each put back on wish.
 */
@NullMarked
package zander.core.change;

import org.jspecify.annotations.NullMarked;
