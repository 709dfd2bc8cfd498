/**
 * Saving a file so that it is whole at every moment, and that nothing of it changes but its
 * content.
 */
@NullMarked
package zander.core.change.save;

import org.jspecify.annotations.NullMarked;
