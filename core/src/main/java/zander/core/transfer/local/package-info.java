/** A folder on this computer as an end of a transfer. */
package zander.core.transfer.local;
