/**
 * What is transferred between a server and this computer, or another server: the queue of a desk,
 * each transfer with its questions, and the sheets for plans, lists and comparisons.
 */
@NullMarked
package zander.desk.transfer;

import org.jspecify.annotations.NullMarked;
