/**
 * What is kept on this computer of a server's contents: sealed, so that a stolen disk tells none.
 */
@NullMarked
package zander.core.seal;

import org.jspecify.annotations.NullMarked;
