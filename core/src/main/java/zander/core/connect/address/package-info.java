/** Where a server is. */
package zander.core.connect.address;
