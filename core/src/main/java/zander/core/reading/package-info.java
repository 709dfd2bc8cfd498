/**
 * Files of any size, read by parts and followed as they grow: lines around any place, places by
 * line, time or text. What is held does not depend on the file's size.
 */
@NullMarked
package zander.core.reading;

import org.jspecify.annotations.NullMarked;
