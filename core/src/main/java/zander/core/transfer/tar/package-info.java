/** Small files by one stream through the server'\''s tar. */
@NullMarked
package zander.core.transfer.tar;

import org.jspecify.annotations.NullMarked;
