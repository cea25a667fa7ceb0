"""The application's settings over a data folder of this test process's own."""

import atexit
import os
import shutil
import tempfile

_home = tempfile.mkdtemp(prefix="tallpage-tests-")
atexit.register(shutil.rmtree, _home, ignore_errors=True)
os.environ["TALLPAGE_HOME"] = _home

from tallpage.server.settings import *  # noqa: E402, F403  (the folder must be known first)

# A test's client asks for few files of the interface: they are looked for then, not listed beforehand.
WHITENOISE_AUTOREFRESH = True
# Passwords that are meant to take long would take most of the time of the tests that sign in.
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
