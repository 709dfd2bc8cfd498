/** What the server's own tools do for a person: packing, unpacking, fetching from the web. */
@NullMarked
package zander.core.archive;

import org.jspecify.annotations.NullMarked;
