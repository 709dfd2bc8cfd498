/** What the desktop of this computer offers to files here. */
@NullMarked
package zander.core.local;

import org.jspecify.annotations.NullMarked;
