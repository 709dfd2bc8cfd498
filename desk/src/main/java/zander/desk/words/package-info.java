/** What the window says: bundles of texts by area, and what reads them. */
@NullMarked
package zander.desk.words;

import org.jspecify.annotations.NullMarked;
