/** The terminal: the emulator's state, its drawing on a canvas, and the bytes of keys. */
package zander.desk.term;
