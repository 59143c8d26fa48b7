2:[["children",{"s":"__PAGE__","h":176}]]
1:[["children",{"s":"_global-error","h":112,"c":"$Q2"}]]
0:{"b":"fnTaZDLztXP6y7dmh8VHB","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
