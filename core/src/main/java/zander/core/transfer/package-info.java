/**
 * Transfers: what goes over the waterline, any number of files and folders in one direction. Both
 * ends are a {@link zander.core.transfer.Side}, so the same code sends up and brings down.
 */
package zander.core.transfer;
