/** How far a transfer is, and how fast it may go. */
package zander.core.transfer.progress;
