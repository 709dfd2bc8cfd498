/** Bytes of a program become text, controls and sequences: the parser of the terminal. */
@NullMarked
package zander.core.term.parse;

import org.jspecify.annotations.NullMarked;
