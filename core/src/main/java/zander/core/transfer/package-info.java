/**
 * The engine of a transfer: any number of files and folders from a {@code Source} to a {@code
 * Target}, whichever of the two is a server. It scans, decides, hands out batches and large files,
 * retries after a lost connection, and reports progress. It knows the ends by their interfaces
 * alone.
 */
@NullMarked
package zander.core.transfer;

import org.jspecify.annotations.NullMarked;
