/** Work off the interface thread, and failures in words. */
@NullMarked
package zander.desk.work;

import org.jspecify.annotations.NullMarked;
