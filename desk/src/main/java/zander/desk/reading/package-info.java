/** Files of any size as sheets to read: paged, searched, and followed as they grow. */
package zander.desk.reading;
