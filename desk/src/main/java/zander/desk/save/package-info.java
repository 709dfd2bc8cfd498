/** Saving an open file: what goes with it, what is asked, and how the change takes effect. */
@NullMarked
package zander.desk.save;

import org.jspecify.annotations.NullMarked;
