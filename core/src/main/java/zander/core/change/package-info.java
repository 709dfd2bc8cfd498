/**
 * Changes on a server: each whole or not at all, each written down first, each put back on wish.
 */
package zander.core.change;
