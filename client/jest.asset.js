module.exports = 1
