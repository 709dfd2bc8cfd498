/** Two trees side by side: what a transfer would do, and what differs. */
package zander.core.transfer.compare;
