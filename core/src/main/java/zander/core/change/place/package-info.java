/** Where things are put on a server: free and temporary names, renames, the holding folder. */
package zander.core.change.place;
