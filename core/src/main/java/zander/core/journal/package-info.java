/** The record of every change made on a server, with what was there before. */
@NullMarked
package zander.core.journal;

import org.jspecify.annotations.NullMarked;
