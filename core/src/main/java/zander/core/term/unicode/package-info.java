/** How many cells a character takes, and which characters share them. */
@NullMarked
package zander.core.term.unicode;

import org.jspecify.annotations.NullMarked;
