2:[["children",{"s":"__PAGE__","h":160}]]
1:[["children",{"s":"_not-found","h":96,"c":"$Q2"}]]
0:{"b":"Rrf21x-awdNzRW8hdfMd5","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
