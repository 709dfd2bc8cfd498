/**
 * What a transfer leaves behind as it goes, so that it can be continued after the program ended.
 */
package zander.core.transfer.resume;
