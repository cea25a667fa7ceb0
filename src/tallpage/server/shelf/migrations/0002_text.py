"""What pages say, to be searched (SQLite FTS5)."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("shelf", "0001_initial")]
    operations = [
        migrations.RunSQL(
            "create virtual table shelf_text using fts5"
            "(name, title, address, text, tokenize = 'unicode61 remove_diacritics 2')",
            "drop table shelf_text",
        ),
        migrations.RunSQL(
            "insert into shelf_text (rowid, name, title, address, text) "
            "select id, name, title, final_address, '' from shelf_capture where storage_key != ''",
            migrations.RunSQL.noop,
        ),
    ]
