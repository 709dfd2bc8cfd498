/** What several views are made of. */
package zander.desk.view.part;
