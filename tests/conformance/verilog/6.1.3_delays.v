// IEEE 1364-2005 clause 6.1.3 and 7.14: inertial delays of continuous assignments, gates and nets
`timescale 1ns / 100ps
module t;
  reg a, en; wire y, z, n, t; wire #3 slow; wire #(2, 4) nd = a;
  assign #2 y = a;
  assign slow = a;
  not #(1, 3) g1(n, a);
  bufif1 #(1, 2, 3) g2(t, a, en);
  assign #1.5 z = a;
  initial $monitor("%0t a=%b y=%b slow=%b n=%b nd=%b t=%b z=%b", $realtime, a, y, slow, n, nd, t, z);
  initial begin
    $timeformat(-9, 1, "", 0);
    a = 0; en = 1; #10 a = 1; #10 a = 0; #10 a = 1; #1 a = 0; #10 en = 0; #5 $finish;
  end
endmodule
//> 0.0 a=0 y=x slow=x n=x nd=x t=x z=x
//> 1.0 a=0 y=x slow=x n=1 nd=x t=x z=x
//> 1.5 a=0 y=x slow=x n=1 nd=x t=x z=0
//> 2.0 a=0 y=0 slow=x n=1 nd=x t=0 z=0
//> 3.0 a=0 y=0 slow=0 n=1 nd=x t=0 z=0
//> 4.0 a=0 y=0 slow=0 n=1 nd=0 t=0 z=0
//> 10.0 a=1 y=0 slow=0 n=1 nd=0 t=0 z=0
//> 11.0 a=1 y=0 slow=0 n=1 nd=0 t=1 z=0
//> 11.5 a=1 y=0 slow=0 n=1 nd=0 t=1 z=1
//> 12.0 a=1 y=1 slow=0 n=1 nd=1 t=1 z=1
//> 13.0 a=1 y=1 slow=1 n=0 nd=1 t=1 z=1
//> 20.0 a=0 y=1 slow=1 n=0 nd=1 t=1 z=1
//> 21.0 a=0 y=1 slow=1 n=1 nd=1 t=1 z=1
//> 21.5 a=0 y=1 slow=1 n=1 nd=1 t=1 z=0
//> 22.0 a=0 y=0 slow=1 n=1 nd=1 t=0 z=0
//> 23.0 a=0 y=0 slow=0 n=1 nd=1 t=0 z=0
//> 24.0 a=0 y=0 slow=0 n=1 nd=0 t=0 z=0
//> 30.0 a=1 y=0 slow=0 n=1 nd=0 t=0 z=0
//> 31.0 a=0 y=0 slow=0 n=1 nd=0 t=1 z=0
//> 33.0 a=0 y=0 slow=0 n=1 nd=0 t=0 z=0
//> 44.0 a=0 y=0 slow=0 n=1 nd=0 t=z z=0
