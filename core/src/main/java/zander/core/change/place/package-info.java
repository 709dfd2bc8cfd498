/** Where things are put on a server: free and temporary names, renames, the holding folder. */
@NullMarked
package zander.core.change.place;

import org.jspecify.annotations.NullMarked;
