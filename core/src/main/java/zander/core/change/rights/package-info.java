/** Rights of whole trees: looked at, planned, set, read back, put back. */
package zander.core.change.rights;
