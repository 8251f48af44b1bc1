console.log('placeholder');
