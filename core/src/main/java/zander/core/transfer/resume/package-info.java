/**
 * What a transfer leaves behind as it goes, so that it can be continued after the program ended.
 */
@NullMarked
package zander.core.transfer.resume;

import org.jspecify.annotations.NullMarked;
