2:[["children",{"s":"__PAGE__","h":176}]]
1:[["children",{"s":"_global-error","h":112,"c":"$Q2"}]]
0:{"b":"Rrf21x-awdNzRW8hdfMd5","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
