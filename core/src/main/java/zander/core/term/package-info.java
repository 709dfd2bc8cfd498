/** A terminal without a window: what a program writes goes in, what is on the screen comes out. */
@NullMarked
package zander.core.term;

import org.jspecify.annotations.NullMarked;
