/** Files of any size as sheets to read: paged, searched, and followed as they grow. */
@NullMarked
package zander.desk.reading;

import org.jspecify.annotations.NullMarked;
