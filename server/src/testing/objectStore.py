# An S3-compatible object store for tests: OpenStack Swift from Debian's python3-swift, its four servers in one
# private process on loopback, files in a temporary folder. It ends when its standard input closes.
import atexit, base64, hashlib, io, json, logging, os, shutil, signal, socket, sys, tempfile
if os.getuid() == 0:                                    # never run as root: become nobody
    os.setgroups([]); os.setgid(65534); os.setuid(65534)
os.environ['EVENTLET_NO_GREENDNS'] = 'yes'
import eventlet, eventlet.wsgi
from swift.common import utils
utils.eventlet_monkey_patch()
class Log(logging.StreamHandler):                       # the log goes to stderr, never to syslog
    def __init__(self, *a, **k): super().__init__(sys.stderr)
utils.ThreadSafeSysLogHandler = Log
root = tempfile.mkdtemp(prefix='s3-store-'); atexit.register(shutil.rmtree, root, ignore_errors=True)
def end(*_): shutil.rmtree(root, ignore_errors=True); os._exit(0)
for s in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP): signal.signal(s, end)
os.chdir(root); os.makedirs('dev/d1')
try: os.setxattr('dev/d1', 'user.swift.test', b'1' * 512); kind = 'object'
except OSError: kind = 'mem_object'                     # no extended attributes here: object bodies in memory
open('swift.conf', 'w').write('[swift-hash]\nswift_hash_path_suffix = test\n')
utils.set_swift_dir(root)
from swift.common.ring import RingBuilder
from swift.common.wsgi import loadapp, SwiftHttpProtocol
def listen(port=0):
    s = eventlet.listen(('127.0.0.1', port), backlog=512, reuse_port=False)
    s.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
    return s
TOP = '''[DEFAULT]
swift_dir = %s
devices = %s/dev
mount_check = false
fallocate_reserve = 0
log_level = WARNING
node_timeout = 60
conn_timeout = 10
container_update_timeout = 60
error_suppression_limit = 1000000
''' % (root, root)
FILTERS = 'catch_errors gatekeeper healthcheck listing_formats bulk s3api tempauth copy slo versioned_writes symlink'
socks, confs = {}, {}
for name in ('account', 'container', 'object'):
    socks[name] = listen()
    b = RingBuilder(1, 1, 0)
    b.add_dev(dict(id=0, region=1, zone=1, ip='127.0.0.1', port=socks[name].getsockname()[1], device='d1', weight=1))
    b.rebalance(); b.get_ring().save(name + '.ring.gz')
    confs[name] = '[app:main]\nuse = egg:swift#%s\n' % (kind if name == 'object' else name)
socks['proxy'] = listen(int(os.environ.get('S3_PORT') or 0))
confs['proxy'] = '[pipeline:main]\npipeline = %s proxy-server\n[app:proxy-server]\nuse = egg:swift#proxy\n' \
    'account_autocreate = true\n' % FILTERS + ''.join('[filter:%s]\nuse = egg:swift#%s\n%s' % (f, f, {
    'tempauth': 'user_test_tester = testing .admin\n', 's3api': 'location = us-east-1\n'}.get(f, ''))
    for f in FILTERS.split())
class NoCache:                                          # tempauth insists on a cache; this one never holds anything
    def __getattr__(self, _): return lambda *a, **k: None
def front(app):
    def run(env, start):
        env['swift.cache'] = NoCache()
        if env['REQUEST_METHOD'] == 'POST' and 'delete' in env.get('QUERY_STRING', '').split('=')[0].split('&'):
            body = env['wsgi.input'].read(int(env.get('CONTENT_LENGTH') or 0))     # DeleteObjects: this Swift insists
            env['wsgi.input'] = io.BytesIO(body)                                   # on Content-MD5, today's SDK sends
            env.setdefault('HTTP_CONTENT_MD5', base64.b64encode(hashlib.md5(body).digest()).decode())    # a CRC32
        return app(env, start)
    return run
for name, text in confs.items():
    open(name + '.conf', 'w').write(TOP + text)
    app = loadapp(os.path.join(root, name + '.conf'), {'log_name': name})
    eventlet.spawn(eventlet.wsgi.server, socks[name], front(app) if name == 'proxy' else app,
        utils.NullLogger(), protocol=SwiftHttpProtocol, capitalize_response_headers=False, socket_timeout=60)
print(json.dumps(dict(port=socks['proxy'].getsockname()[1], dir=root, objects=kind)), flush=True)
eventlet.hubs.trampoline(0, read=True)                  # nothing is ever written to stdin: readable means closed
end()
