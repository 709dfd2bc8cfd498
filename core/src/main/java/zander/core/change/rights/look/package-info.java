/** What is there in trees, and whose: looked through for a plan, and for what is too wide. */
@NullMarked
package zander.core.change.rights.look;

import org.jspecify.annotations.NullMarked;
