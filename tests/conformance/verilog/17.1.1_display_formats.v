// IEEE 1364-2005 clause 17.1.1: formats, field widths, and how unknown digits show
module t;
  reg [31:0] r; reg signed [7:0] s; reg [11:0] h; real x; time tm; integer i;
  initial begin
    r = 101; $display("r=%d|%0d|%h|%0h|%o|%0o|%b", r, r, r, r, r, r, r[7:0]);
    s = -1; $display("%d|%0d|%h|%b|%c|", s, s, s, s, 8'd65);
    h = 12'b0000_xxxx_zzzz; $display("%h %d %o", h, h, h);
    h = 12'bxz01_0x1z_1111; $display("%h %0h", h, h);
    x = 3.14159; $display("%f|%0.2f|%e|%g|%10.3f|", x, x, x, x, x);
    $display(r, s, h); $display("a", "b"); $display; $display("%0d%%", 50);
    $displayb(4'b0101); $displayh(8'd200); $displayo(8'd8);
    $display("%s", "text"); $display("%5s|%-5s|", "ab", "cd");
    i = -12; $display("%d|%6d|%0d", i, i, i);
    tm = 64'd12; $display("%d|%t|%0t", tm, tm, tm);
    $display("%x %X %H %D", 8'hab, 8'hcd, 8'hef, 8'd9);
    $display("%b", 1'bz, " ", 1'bx); $display("%d", 1'bx);
    $display("%m"); $write("no newline;"); $write("\n");
    $display("%0d %0d", 3, 4, 5); $display("%d %d", 8'd1);
    $display("%v %v %v", 1'b1, 1'b0, 1'bx);
    $display("%3d|%3d|%03d", 8'd5, 12'd1000, 8'd7);
  end
endmodule
//> r=       101|101|00000065|65|00000000145|145|01100101
//>   -1|-1|ff|11111111|A|
//> 0xz    X 0XXz
//> XXf XXf
//> 3.141590|3.14|3.141590e+00|3.14159|     3.142|
//>        101  -1   X
//> ab
//> 
//> 50%
//> 0101
//> c8
//> 010
//> text
//>    ab|cd   |
//>         -12|   -12|-12
//>                   12|                  12|12
//> ab cd ef   9
//> z x
//> x
//> t
//> no newline;
//> 3 4          5
//>   1 %d
//> St1 St0 StX
//>   5|1000|007
