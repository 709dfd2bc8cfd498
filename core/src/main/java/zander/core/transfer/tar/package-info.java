/** Small files by one stream through the server'\''s tar. */
package zander.core.transfer.tar;
