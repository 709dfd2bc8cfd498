/** What the server's own tools do for a person: packing, unpacking, fetching from the web. */
package zander.core.archive;
