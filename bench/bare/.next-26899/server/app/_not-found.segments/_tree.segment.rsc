2:[["children",{"s":"__PAGE__","h":160}]]
1:[["children",{"s":"_not-found","h":96,"c":"$Q2"}]]
0:{"b":"fnTaZDLztXP6y7dmh8VHB","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
