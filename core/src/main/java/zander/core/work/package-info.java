/** Threads that must not wait, and work that can be stopped. */
@NullMarked
package zander.core.work;

import org.jspecify.annotations.NullMarked;
