/** The terminal: the emulator's state, its drawing on a canvas, and the bytes of keys. */
@NullMarked
package zander.desk.term;

import org.jspecify.annotations.NullMarked;
