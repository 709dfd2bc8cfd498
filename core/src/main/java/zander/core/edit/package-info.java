/** Text as it is edited, and what must survive the editing. */
@NullMarked
package zander.core.edit;

import org.jspecify.annotations.NullMarked;
